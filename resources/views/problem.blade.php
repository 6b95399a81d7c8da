<x-page title="It did not work">
    <h1>It did not work</h1>@include('parts.trouble')<p><a href="/">To Today</a></p>
</x-page>
