<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** A document and what becomes of its references when files of its site move, itself maybe among them. */
final readonly class FollowedText
{
    /**
     * @param  list<TornReference>  $torn
     * @param  string|null  $text  with those mended that can be; null where none can
     */
    private function __construct(public array $torn, public ?string $text)
    {
    }

    /**
     * @param  string  $path  below the root of the site, before anything moves
     * @param  Resolver  $before  that knows the names there are
     * @param  list<string>  $own  hosts that are the site itself
     */
    public static function fromText(string $path, string $text, Moves $moves, Resolver $before, array $own = []): self
    {
        $itself = $moves->of($path);
        if ($itself === null) {
            return new self([], null);
        }
        $document = Documents::read($path, $text);
        $torn = [];
        $splices = new Splices;
        $rewrite = new Rewrite($itself, $document, $own);
        foreach ($document->references as $reference) {
            $target = $before->resolve($path, $document, $reference)->target;
            if ($target === null) {
                continue;
            }
            $new = $moves->of($target);
            $after = Address::parse($reference->value, $itself, $document->base, $own);
            $wanted = self::asWritten($target, $new, Address::parse($reference->value, $path, $document->base, $own));
            if ($wanted !== null && $after->path === $wanted && $after->kind !== AddressKind::AboveRoot) {
                continue;
            }
            $raw = substr($text, $reference->offset, $reference->length);
            $written = $wanted === null ? null : $rewrite->rewritten($raw, $reference, $wanted);
            $written === null || $splices->write($reference, $written);
            $torn[] = new TornReference($path, $document->line($reference->offset), $raw, $target, $written);
        }

        return new self($torn, $splices->isEmpty() ? null : $splices->applied($text));
    }

    /** The path to be written: of the directory where that was, and its start page is still called the same. */
    private static function asWritten(string $target, ?string $new, Address $address): ?string
    {
        $isByDirectory = $address->path !== $target;

        return $new !== null && $isByDirectory && basename($new) === basename($target)
            ? ltrim(dirname("/$new"), '/')
            : $new;
    }
}
