@switch($run->state)
    @case('proven')
        <x-tag tone="proven">live and proven</x-tag>
    @break

    @case('refused')
        <x-tag tone="soon">refused, nothing touched</x-tag>
    @break

    @case('put_back_unproven')
        <x-tag tone="now">put back, not proven</x-tag>
    @break

    @case('drafting')
        <x-tag tone="later">being planned</x-tag>
    @break

    @case('not_planned')
        <x-tag tone="soon">no plan</x-tag>
    @break

    @case('called_off')
        <x-tag>cancelled</x-tag>
    @break

    @case('put_back')
        <x-tag tone="now">failed, put back</x-tag>
    @break

    @case('unfinished')
        <x-tag tone="now">not yet put back</x-tag>
    @break

    @case('planned')
        <x-tag>a plan, not started</x-tag>
    @break

    @case('waiting')
        <x-tag tone="later">waits</x-tag>
    @break

    @default
        <x-tag tone="later">running</x-tag>
@endswitch
