<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

/** The next step once an address does not show what was sent. */
enum AfterFailedProof
{
    case GoBack;

    /** Everything is fetched once more: a cache may have been emptied meanwhile. */
    case ProveAgain;

    /** The modes that keep the web server out are set first, each as little as lets it in. */
    case MendAndProve;
}
