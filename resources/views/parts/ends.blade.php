@use('App\Models\Closing')
@use('App\Models\FtpUser')
<span class="name">Closes</span>
<div role="radiogroup" aria-label="Closes">
    <div class="check"><label><input type="radio" name="ends" value="@exactly(Closing::AtTime->value)"
        @checked($ends === Closing::AtTime)>
            at</label> <input class="entry is-time" name="closes" type="datetime-local"
                value="@exactly(($closes ?? now()->addDay()->setTime(18, 0))->format('Y-m-d\TH:i'))"
            aria-label="Closing time"></div>
    <label class="check"><input type="radio" name="ends" value="@exactly(Closing::WithJob->value)"
        @checked($ends === Closing::WithJob)>
        when its job ends</label>
    <div class="check"><label><input type="radio" name="ends" value="@exactly(Closing::Never->value)"
                @checked($ends === Closing::Never)> never,</label> <input class="entry" name="reason"
            value="@exactly($reason)" placeholder="because …" aria-label="Why it never closes" maxlength="200"></div>
</div>
