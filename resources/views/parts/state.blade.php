<x-tag :tone="$run->tone()">{{ $run->label() }}</x-tag>
