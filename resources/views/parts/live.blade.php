@include('parts.running')
@include('parts.stations', ['oob' => true])
