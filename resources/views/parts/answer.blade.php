@leads("/deployments/$deployment->id/answers", 'POST')
<form method="post" action="/deployments/{{ $deployment->id }}/answers" class="act-form">@csrf
    <input type="hidden" name="scope" value="{{ $scope }}">
    <input type="hidden" name="choice" value="{{ $choice }}">
    <input type="hidden" name="show" value="questions">
    <button class="act{{ $isChosen ? ' is-main' : '' }}" data-once aria-pressed="{{ $isChosen ? 'true' : 'false' }}">{{
        $words }}</button></form>
@endleads
