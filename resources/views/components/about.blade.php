@props(['concern'])
@if ($concern->page === null)
    <bdi>{{ \App\Text\Breakable::html($concern->about) }}</bdi>
@else
    <a href="{{ $concern->page }}"><bdi>{{ \App\Text\Breakable::html($concern->about) }}</bdi></a>
@endif
