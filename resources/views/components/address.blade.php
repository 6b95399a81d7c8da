@props(['address'])
<span class="address"><code>{{ $address }}</code> <button type="button" class="link" data-copy="@exactly($address)"
        aria-label="copy address {{ $address }}">copy address</button></span>
