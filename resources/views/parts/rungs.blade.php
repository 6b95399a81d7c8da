@php($verb = ['address' => 'Use this address', 'port' => 'Use this port', 'protocol' => 'Change the protocol',
    'login' => 'Use the whole login', 'identity' => 'I have compared it: accept'])
<ol class="steps is-rungs">
    @foreach ($rungs as $rung)
        <li class="{{ $rung['ok'] ? 'is-ok' : 'is-broken' }}"><span><b class="rung-name">{{ $rung['name'] }}</b> <span
                    class="evidence"><bdi>{{ $rung['identity']
                        ? str_replace([", SHA-256 {$rung['identity']['fingerprint']}",
                            " {$rung['identity']['fingerprint']}"], '', $rung['evidence']) : $rung['evidence'] }}</bdi>
                    @if ($rung['identity'] && $rung['reason'] !== 'identity_changed')
                        <code class="print">{{ $rung['identity']['fingerprint'] }}</code>
                    @endif
                </span>
                @if ($rung['cause'] && $rung['reason'] !== 'identity_changed')
                    <em><bdi>{{ $rung['cause'] }}</bdi></em>
                @endif
                @if ($rung['reason'] === 'identity_changed')
                    <span class="pins"><span>accepted</span><code>{{ $pin['fingerprint'] ?? '' }}</code><span>shown
                            now</span><code>{{ $rung['identity']['fingerprint'] ?? '' }}</code></span>
                @endif
                @if ($rung['next'])
                    <em><bdi>{{ $rung['next'] }}</bdi></em>
                @endif
                @if ($rung['remedy'] && $remedies !== null)
                    <form method="post" action="{{ $remedies }}" class="act-form">@csrf<input type="hidden"
                            name="change" value="@exactly($rung['remedy']['change'])"><input type="hidden" name="value"
                            value="@exactly($rung['remedy']['value'])"><button class="act"
                            data-once>{{ $verb[$rung['remedy']['change']] }}@if (in_array($rung['remedy']['change'],
                                ['address', 'port', 'login'], true))
                                : {{ $rung['remedy']['value'] }}
                            @endif
                        </button>
                    </form>
                @endif
            </span></li>
    @endforeach
</ol>
