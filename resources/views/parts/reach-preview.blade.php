@if ($reach === null)<span class="bad">This is not a
    directory.</span>@else<b>@words($reach->sentence())</b>
    @if ($reach->isWholeAccount())
        <span class="bad">the whole account</span>
    @elseif ($reach->isTooWide())
        <span class="bad">wider than one job needs</span>
    @endif @unless ($known)
    <span class="bad">not seen when the account was last looked at</span>
@endunless
@endif
