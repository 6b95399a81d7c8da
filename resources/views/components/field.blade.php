@props(['for', 'label', 'form' => null])
{{-- A field with its label; with a form, also what is wrong with what was typed into it. --}}
<label for="{{ $for }}">{{ $label }}</label>
<div {{ $attributes }}>{{ $slot }}
    @if ($form !== null)
        <x-field-note :form="$form" :field="$for" />
    @endif
</div>
