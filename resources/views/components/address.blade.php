@props(['address'])
<span class="address"><code>{{ $address }}</code> <button type="button" class="link" data-copy="{{ $address }}" aria-label="Copy address {{ $address }}">copy address</button></span>
