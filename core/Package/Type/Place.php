<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Type;

/** The destination of a kind of package. */
enum Place: string
{
    case DocumentRoot = 'document_root';

    /** One of its directories becomes the document root; the rest lies above it, where nobody can fetch it. */
    case AboveDocumentRoot = 'above_document_root';

    /** A directory inside the document root, for an application beside a site. */
    case Subfolder = 'subfolder';

    /** A directory of an installed system, its themes or extensions. */
    case InsideSystem = 'inside_system';
}
