{{-- By idea; what stands further down holds where two say something of the same. --}}
@foreach (['frame', 'today', 'tables', 'runs', 'accounts', 'reach', 'sites', 'packages', 'files', 'time'] as $sheet)
    <link rel="stylesheet" href="/css/{{ $sheet }}.css?v={{ filemtime(public_path("css/$sheet.css")) }}">
@endforeach
