<?php

declare(strict_types=1);

namespace Cellarium\Core\Package\Mend;

use Cellarium\Core\Reference\Document;
use Cellarium\Core\Reference\Documents;
use Cellarium\Core\Reference\Reference;
use Cellarium\Core\Reference\Rewrite;
use Cellarium\Core\Reference\Splices;

/** A document whose references are written anew, at their place only; every other byte is as it was. */
final class MendedText
{
    /** @var list<MendChange> */
    public array $changes = [];

    private readonly Document $document;

    private readonly Splices $splices;

    public function __construct(
        private readonly string $path,
        private readonly string $text,
        private readonly NewNames $names,
    ) {
        $this->document = Documents::read($path, $text);
        $this->splices = new Splices;
    }

    /** @return bool false where it cannot be said in that place */
    public function correct(Mend $mend): bool
    {
        foreach ($this->document->references as $reference) {
            if ($reference->offset === $mend->finding->offset) {
                $target = $this->names->renamed((string) $mend->finding->suggestion);

                return $this->write($mend->kind, $reference, $target);
            }
        }

        return false;
    }

    /** References to a file that has another name now. */
    public function follow(): void
    {
        foreach ($this->document->references as $reference) {
            $old = $this->names->resolver->resolve($this->path, $this->document, $reference)->target;
            $new = $old === null ? null : $this->names->renamed($old);
            if ($new !== null && $new !== $old && ! $this->splices->has($reference->offset)) {
                $this->write(MendKind::RenameStartPage, $reference, $new);
            }
        }
    }

    public function result(): string
    {
        return $this->splices->applied($this->text);
    }

    private function write(MendKind $kind, Reference $reference, string $target): bool
    {
        $raw = substr($this->text, $reference->offset, $reference->length);
        $written = (new Rewrite($this->path, $this->document))->rewritten($raw, $reference, $target);
        if ($written === null) {
            return false;
        }
        $this->splices->write($reference, $written);
        $this->changes[] = new MendChange(
            $kind,
            $this->path,
            $this->path,
            $this->document->line($reference->offset),
            $reference->offset,
            $raw,
            $written,
        );

        return true;
    }
}
