<x-page title="It did not work">
    <h1>It did not work</h1>@include('parts.trouble')<p>@include('parts.way-back')</p>
</x-page>
