@props(['name'])
<span {{ $attributes->class(['breakable']) }}>{{ \App\Text\Breakable::html($name) }}</span>
