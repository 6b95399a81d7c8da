<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** Other addresses in a document, each written as the one in its place was: what follows the path stays to the byte. */
final readonly class Rewrite
{
    /**
     * @param  string  $file  the document's path below the root of the site
     * @param  list<string>  $own  hosts that are the site itself
     */
    public function __construct(private string $file, private Document $document, private array $own = [])
    {
    }

    /**
     * @param  string  $raw  as it is written in the document
     * @param  string  $target  a path below the root of the site that it should lead to
     * @return string|null null where it cannot be said in this place without changing more than the path
     */
    public function rewritten(string $raw, Reference $reference, string $target): ?string
    {
        if (preg_match('~^(\s*+)([^?#\s&\\\\]*)((?:[?#].*)?)(\s*+)$~sD', $raw, $part) !== 1) {
            return null;
        }
        [, $before, $path, $rest, $after] = $part;
        // Only what stands there as it is read can be replaced there.
        if ($path === '' || ! str_starts_with($reference->value, $path)) {
            return null;
        }
        $ways = [
            self::segmentwise($path, $target),
            $this->whole($path, $target),
        ];
        foreach ($ways as $written) {
            if ($written !== null && $this->leadsTo($written) === $target) {
                return $before.$written.$rest.$after;
            }
        }

        return null;
    }

    private function leadsTo(string $written): ?string
    {
        $address = Address::parse($written, $this->file, $this->document->base, $this->own);

        return $address->kind === AddressKind::AboveRoot ? null : $address->path;
    }

    /** From the end on, as far as both go; "../" and "./" stay, and so does every name that is right already. */
    private static function segmentwise(string $path, string $target): string
    {
        $written = explode('/', $path);
        $names = explode('/', $target);
        for ($at = count($written) - 1; $names !== [] && $at >= 0 && $written[$at] !== '..'; $at--) {
            if ($written[$at] !== '' && $written[$at] !== '.') {
                $name = array_pop($names);
                $written[$at] = rawurldecode($written[$at]) === $name ? $written[$at] : self::encoded($name, $path);
            }
        }

        return implode('/', $written);
    }

    private function whole(string $path, string $target): ?string
    {
        if ($this->document->base !== null) {
            return null;
        }
        $names = array_map(static fn (string $name): string => self::encoded($name, $path), explode('/', $target));
        if ($path[0] === '/') {
            return '/'.implode('/', $names);
        }
        $from = array_slice(explode('/', $this->file), 0, -1);
        $to = explode('/', $target);
        while ($from !== [] && count($to) > 1 && $from[0] === $to[0]) {
            array_shift($from);
            array_shift($to);
            array_shift($names);
        }

        return str_repeat('../', count($from)).implode('/', $names);
    }

    /** Percent-encoded where the address was, or where the name would mean something else (RFC 3986, 2.2). */
    private static function encoded(string $name, string $path): string
    {
        $isPlain = preg_match('/^[\w.~+@\x80-\xff-]+$/D', $name) === 1;
        $isText = preg_match('/[\x80-\xff]/', $name) !== 1 || preg_match('/[\x80-\xff]/', $path) === 1;

        return $isPlain && $isText && ! str_contains($path, '%') ? $name : rawurlencode($name);
    }
}
