@use('Cellarium\Core\Credential\PasswordStrength')
@if ($bits !== null)
    @php($enough = $bits >= PasswordStrength::MINIMUM_BITS)
    <svg class="meter" width="240" height="6" viewBox="0 0 240 6" aria-hidden="true">
        <rect class="all" width="240" height="6" rx="3" />
        <rect class="part{{ $enough ? '' : ' is-now' }}" width="{{ min(240, $bits * 2) }}" height="6"
            rx="3" />
    </svg>
    <p class="{{ $enough ? 'soft' : 'is-now-text' }}">{{ $bits }} bits: {{ PasswordStrength::inWords($bits) }}
    </p>
@endif
