<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Reference\Address;
use Cellarium\Core\Reference\AddressKind;
use Cellarium\Core\Reference\Document;
use Cellarium\Core\Reference\Fault;
use Cellarium\Core\Reference\Reference;
use Cellarium\Core\Reference\ResolvedReference;

/** A reference of a changed file that browsers ask for within its site. */
final readonly class AskedReference
{
    /**
     * @param  string  $page  path of the file that asks, from where the run begins
     * @param  int  $line  in it, from 1
     * @param  string  $asks  as it is written there
     * @param  string|null  $address  where it leads, decoded, without a slash at its beginning; null where no server
     *     has it
     * @param  bool  $isFromTop  whether that begins at the top of the domain, and not where visitors come in
     * @param  string|null  $target  the file it leads to, where there is one
     */
    private function __construct(
        public string $page,
        public int $line,
        public string $asks,
        public ?string $address,
        public bool $isFromTop,
        public ?string $target,
    ) {
    }

    /**
     * Null where it leads elsewhere, or back to the page itself.
     *
     * @param  string  $public  the directory visitors come in at; "" is the top
     */
    public static function fromReference(
        RelativePath $page,
        string $text,
        Document $document,
        Reference $reference,
        ResolvedReference $found,
        string $public,
    ): ?self {
        $path = $page->toString();
        if ($found->target === $path || in_array($found->fault, [Fault::PrivateHost, Fault::WithLogin], true)) {
            return null;
        }
        $address = Address::parse(
            $reference->value,
            $public === '' ? $path : substr($path, strlen($public) + 1),
            $document->base,
        );
        $isInside = in_array($address->kind, [AddressKind::Inside, AddressKind::AboveRoot], true);
        if (! $isInside && $address->kind !== AddressKind::LocalFile) {
            return null;
        }

        $inside = $address->path.($address->isDirectory && $address->path !== '' ? '/' : '');

        return new self(
            $path,
            1 + substr_count(substr($text, 0, $reference->offset), "\n"),
            $reference->value,
            $isInside ? $inside : null,
            str_starts_with($reference->value, '/') || $address->kind === AddressKind::AboveRoot,
            $found->target,
        );
    }

    /** The same for whatever leads to one place. */
    public function key(): string
    {
        return $this->address === null ? "local $this->asks" : (int) $this->isFromTop." $this->address";
    }
}
