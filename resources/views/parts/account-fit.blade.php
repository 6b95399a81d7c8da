{{ $counts[0] === $counts[1] ? number_format($counts[1]) : number_format($counts[0]).' of '.number_format($counts[1]) }}
