<x-path :path="$finding->path" /> @words($finding->message)
