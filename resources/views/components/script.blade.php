@props(['name'])
{{-- A module of public/js; its address changes with what it holds. --}}
<script src="/js/{{ $name }}.js?v={{ filemtime(public_path("js/$name.js")) }}" type="module"></script>
