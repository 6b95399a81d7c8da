@props(['form', 'field'])
@if (isset($form->wrong[$field]))
    <p class="is-now-text">{{ $form->wrong[$field] }}</p>
@elseif (isset($form->remarks[$field]))
    <p class="is-soon-text">{{ $form->remarks[$field] }}</p>
@endif
@if (isset($form->otherwise[$field]) && ! isset($form->wrong[$field]))
    <p class="row-acts"><button type="button" class="act" data-fill="{{ $field }}"
            data-value="@exactly($form->otherwise[$field])">{{ $field === 'password' ? 'Use the other reading'
                : 'Use '.$form->otherwise[$field].' instead' }}</button>
    </p>
@endif
