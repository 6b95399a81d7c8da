@include('errors.5xx')
