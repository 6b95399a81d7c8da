@props(['address'])
<span class="address"><code class="breakable">{{ \App\Text\Breakable::html($address) }}</code>
    <button type="button" class="link" data-copy="@exactly($address)"
        aria-label="copy address {{ $address }}">copy address</button></span>
