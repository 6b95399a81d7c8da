<x-tag :tone="$run->state->tone()">{{ $run->state->label() }}</x-tag>
