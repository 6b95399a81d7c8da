@if (str_starts_with(url()->previous('/'), url('/').'/') && url()->previous('/') !== url()->current())
    <a href="{{ url()->previous('/') }}">Back to where you were</a> ·
@endif
<a href="/">To Today</a>
