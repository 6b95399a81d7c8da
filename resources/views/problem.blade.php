<x-page title="It did not work">
    <h1>It did not work</h1>@include('parts.trouble')<p><a href="/" data-back>To Today</a></p>
    <script src="/js/back.js" defer></script>
</x-page>
