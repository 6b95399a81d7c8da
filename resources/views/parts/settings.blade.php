<dl class="pairs is-copy">
    @foreach ($settings->reveal() as $name => $text)
        <dt>{{ $name }}</dt>
        <dd><code @if ($name === 'Password') id="handed-password" @endif>{{ $text }}</code> <button
                type="button" class="link" data-copy="@exactly($text)"
                aria-label="copy {{ $name }}">copy</button></dd>
    @endforeach
    <dt>As an address</dt>
    <dd><code>{{ $settings->uri(false) }}</code> <button type="button" class="link"
        data-copy="@exactly($settings->uri(false))"
            aria-label="copy the address">copy</button></dd>
    <dt>With the password</dt>
    <dd><code>{{ $settings->uri(true) }}</code> <button type="button" class="link"
        data-copy="@exactly($settings->uri(true))"
            aria-label="copy the address with the password">copy</button></dd>
</dl>
<label class="small-head" for="as-text">As text</label>
<textarea class="entry is-mono" id="as-text" rows="8" readonly>@exactly($settings->text())</textarea>
<div class="row-acts"><button type="button" class="act is-main" data-copy="@exactly($settings->text())">Copy it
    all</button>
</div>
