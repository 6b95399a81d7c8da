<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** The direction of an address, as far as it says so itself. */
enum AddressKind
{
    /** A file or directory of the same site. */
    case Inside;

    /** A place in the same document. */
    case Fragment;

    /** Another host. */
    case Elsewhere;

    /** No place at all: mailto:, tel:, data:, javascript: and the like. */
    case NoPlace;

    /** Above the root of the site: browsers stop at the root, servers have nothing there. */
    case AboveRoot;

    /** A file of the author's computer: file:, a drive, a share. */
    case LocalFile;

    /** A host that only some network knows: localhost, private addresses. */
    case PrivateHost;

    /** An address with a login in it. */
    case WithLogin;
}
