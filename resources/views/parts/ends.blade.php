@use('App\Models\Closing')
{{-- When an FTP user closes; $ends, $closes and $reason as they were typed, $form where its notes are shown. --}}
<span class="name">Closes</span>
<div role="radiogroup" aria-label="Closes">
    <div class="check">
        <label><input type="radio" name="ends" value="{{ Closing::AtTime->value }}"
                @checked($ends === Closing::AtTime->value)> at</label>
        <input class="entry is-time" name="closes" type="datetime-local" value="@exactly($closes)"
            aria-label="Closing time">
    </div>
    @isset($form)
        <x-field-note :form="$form" field="closes" />
    @endisset
    <label class="check"><input type="radio" name="ends" value="{{ Closing::WithJob->value }}"
            @checked($ends === Closing::WithJob->value)> when its job ends: the deployment that signs in as it</label>
    <div class="check">
        <label><input type="radio" name="ends" value="{{ Closing::Never->value }}"
                @checked($ends === Closing::Never->value)> never,</label>
        <input class="entry" name="reason" value="@exactly($reason)" placeholder="because …"
            aria-label="Why it never closes" maxlength="200">
    </div>
    @isset($form)
        <x-field-note :form="$form" field="reason" />
        <x-field-note :form="$form" field="ends" />
    @endisset
</div>
