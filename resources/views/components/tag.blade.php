@props(['tone' => 'plain'])
<span class="note is-{{ $tone }}">{{ $slot }}</span>
