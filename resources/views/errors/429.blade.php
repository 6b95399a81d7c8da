@include('errors.4xx')
