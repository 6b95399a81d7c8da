<title>{{ $view->title() }} · Cellarium</title>
@include('parts.running')
@include('parts.stations', ['oob' => true])
