@use('App\Accounts\RungView')
<ol class="steps is-rungs">
    @foreach (array_map(fn(array $rung) => new RungView($rung), $rungs) as $rung)
        <li class="{{ $rung->ok ? 'is-ok' : 'is-broken' }}">
            <span>
                <b class="rung-name">{{ $rung->name }}</b>
                <span class="evidence"><bdi>@words($rung->evidence)</bdi>
                    @if ($rung->fingerprint !== null && ! $rung->changed)
                        <x-path class="print" :path="$rung->fingerprint" />
                    @endif
                </span>
                @if ($rung->cause)
                    <em><bdi>@words($rung->cause)</bdi></em>
                @endif
                @if ($rung->changed)
                    <span class="pins">
                        <span>accepted</span><x-path :path="$pin['fingerprint'] ?? ''" />
                        <span>shown now</span><x-path :path="$rung->fingerprint" />
                    </span>
                @endif
                @if ($rung->next)
                    <em><bdi>@words($rung->next)</bdi></em>
                @endif
                @if ($rung->remedy && $remedies !== null)
                    @leads($remedies, 'POST')
                    <form method="post" action="{{ $remedies }}" class="act-form">@csrf
                        <input type="hidden" name="change" value="@exactly($rung->remedy['change'])">
                        <input type="hidden" name="value" value="@exactly($rung->remedy['value'])">
                        <button class="act" data-once>{{ $rung->label() }}</button>
                    </form>
                    @endleads
                @endif
            </span>
        </li>
    @endforeach
</ol>
