<?php

declare(strict_types=1);

namespace Cellarium\Core\Reference;

/** An address in a document, resolved against where the document lies (RFC 3986, 5.2, as browsers do it). */
final readonly class Address
{
    private const PRIVATE_HOST = '~^(?:localhost|(?:.+\.)?(?:localhost|local|internal|lan|home\.arpa|test|invalid)'
        .'|127(?:\.\d{1,3}){1,3}|10(?:\.\d{1,3}){3}|192\.168(?:\.\d{1,3}){2}|172\.(?:1[6-9]|2\d|3[01])(?:\.\d{1,3}){2}'
        .'|169\.254(?:\.\d{1,3}){2}|0\.0\.0\.0|\[(?:::1?|f[cd][\da-f]{2}:.*|fe80:.*)\])$~i';

    /**
     * @param  string|null  $path  below the root of the site, decoded, without a slash at either end; "" is the root
     * @param  bool  $isDirectory  whether it is written as one, with a slash at its end
     * @param  string|null  $fragment  decoded, without "#"
     */
    private function __construct(
        public AddressKind $kind,
        public ?string $path = null,
        public bool $isDirectory = false,
        public ?string $fragment = null,
        public ?string $host = null,
        public bool $isPlainHttp = false,
    ) {
    }

    /**
     * @param  string  $file  of the document, below the root of the site
     * @param  string|null  $base  of its <base href>
     * @param  list<string>  $own  hosts that are the site itself
     */
    public static function parse(string $value, string $file, ?string $base = null, array $own = []): self
    {
        $place = '/'.$file;
        if ($base !== null && ($value === '' || $value[0] !== '#')) {
            $root = self::parse($base, $file, null, $own);
            if ($root->kind !== AddressKind::Inside) {
                // All that is relative leads where the base leads.
                return self::hasScheme($value) ? self::parse($value, $file, null, $own) : $root;
            }
            $place = '/'.$root->path.($root->isDirectory && $root->path !== '' ? '/' : '');
        }
        if (preg_match('~^(?:file:|[a-z]:[\\\\/]|[a-z]\|/|\\\\\\\\)~i', $value) === 1) {
            return new self(AddressKind::LocalFile);
        }
        if (preg_match('~^(?:(https?|ftps?|sftp):)?[/\\\\]{2}([^/\\\\?#]*)(.*)$~is', $value, $match) === 1) {
            return self::withHost(strtolower($match[1]), $match[2], $match[3], $own);
        }
        if (self::hasScheme($value)) {
            return new self(AddressKind::NoPlace);
        }

        return self::relative($value, $place);
    }

    private static function hasScheme(string $value): bool
    {
        return preg_match('~^[a-z][a-z\d+.-]*:~i', $value) === 1;
    }

    /** @param  list<string>  $own */
    private static function withHost(string $scheme, string $authority, string $rest, array $own): self
    {
        $at = strrpos($authority, '@');
        $host = $at === false ? $authority : substr($authority, $at + 1);
        $host = strtolower((string) preg_replace('~:\d*$~', '', $host));
        if (in_array($host, $own, true) && $at === false) {
            return self::relative($rest === '' ? '/' : $rest, '/');
        }
        $kind = match (true) {
            $at !== false => AddressKind::WithLogin,
            preg_match(self::PRIVATE_HOST, $host) === 1 => AddressKind::PrivateHost,
            default => AddressKind::Elsewhere,
        };

        return new self($kind, host: $host, isPlainHttp: $scheme === 'http');
    }

    private static function relative(string $value, string $place): self
    {
        $parts = explode('#', $value, 2);
        $fragment = isset($parts[1]) ? rawurldecode($parts[1]) : null;
        $path = str_replace('\\', '/', explode('?', $parts[0], 2)[0]);
        if ($path === '') {
            return new self(AddressKind::Fragment, ltrim($place, '/'), fragment: $fragment);
        }
        $whole = $path[0] === '/' ? $path : substr($place, 0, (int) strrpos($place, '/') + 1).$path;
        $kept = [];
        $above = false;
        $parts = explode('/', $whole);
        foreach ($parts as $part) {
            $plain = rawurldecode($part);
            if ($plain === '..') {
                $above = $above || $kept === [];
                array_pop($kept);
            } elseif ($plain !== '.' && $plain !== '') {
                $kept[] = $plain;
            }
        }

        return new self(
            $above ? AddressKind::AboveRoot : AddressKind::Inside,
            implode('/', $kept),
            in_array(end($parts), ['', '.', '..'], true),
            $fragment,
        );
    }
}
