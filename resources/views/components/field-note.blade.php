@props(['form', 'field'])
@if (isset($form->wrong[$field]))<p class="is-now-text">{{ $form->wrong[$field] }}</p>@elseif (isset($form->remarks[$field]))<p class="is-soon-text">{{ $form->remarks[$field] }}</p>@endif
