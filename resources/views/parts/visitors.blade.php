@use('App\Runs\VisitorsView')
@foreach ($visitors->public() as $sentence)
    <p class="word is-trouble"><bdi>@words($sentence)</bdi></p>
@endforeach
@if ($visitors->unanswered() !== [])
    <h3>Its pages ask for what visitors do not get</h3>
    <ul class="notes">
        @foreach (array_slice($visitors->unanswered(), 0, VisitorsView::NAMED) as $sentence)
            <li><bdi>@words($sentence)</bdi></li>
        @endforeach
    </ul>
    @if (count($visitors->unanswered()) > VisitorsView::NAMED)
        <p class="soft">and {{ count($visitors->unanswered()) - VisitorsView::NAMED }} more</p>
    @endif
@endif
@if ($visitors->notAsked() !== '')
    <p class="soft">{{ $visitors->notAsked() }}</p>
@endif
@foreach ($visitors->listed() as $directory => $at)
    <div class="word is-soon">
        <p>Visitors who come to <x-path :path="$directory === '' ? '/' : $directory.'/'" /> get a list of the files in
            it.</p>
        @leads("/sites/$site->id/start-page", 'POST')
            <form method="post" action="/sites/{{ $site->id }}/start-page" class="act-form">@csrf
                <input type="hidden" name="at" value="@exactly($at)">
                <button class="act" data-once>Put an empty start page there</button>
            </form>
        @endleads
    </div>
@endforeach
@if ($visitors->refused() !== [])
    <ul class="notes">
        @foreach (array_slice($visitors->refused(), 0, VisitorsView::NAMED) as $sentence)
            <li><bdi>@words($sentence)</bdi></li>
        @endforeach
    </ul>
@endif
@if ($visitors->since() !== null)
    <p>@words($visitors->since())</p>
@endif
