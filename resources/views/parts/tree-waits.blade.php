<p class="soft"
    hx-get="/accounts/{{ $account->id }}/tree?{{ http_build_query(['at' => $at->toString(), 'errand' => $errand->id])
        }}"
    hx-trigger="load delay:500ms" hx-swap="outerHTML">looking …</p>
