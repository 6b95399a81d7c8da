@props(['path'])
<code {{ $attributes->class(['breakable']) }}>{{ \App\Text\Breakable::html($path) }}</code>
