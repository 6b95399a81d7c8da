<?php

declare(strict_types=1);

namespace Cellarium\Core\Web;

use Closure;

/**
 * Addresses to which a redirect of a client's site may lead this machine: to the site itself, and to what everybody can
 * reach. A hostile site could else have it ask services of the network it stands in (CWE-918).
 */
final readonly class RedirectTargets
{
    /** Ports of the web, and none of the services that may listen beside it. */
    private const PORTS = [80, 443];

    /** How IPv6 addresses begin that carry one of IPv4, which may lie inside: RFC 6052, 2.1; RFC 8215; RFC 3056, 2. */
    private const CARRYING = ["\x00\x64\xff\x9b", "\x20\x02"];

    /** @param  (\Closure(string): list<string>)|null  $addresses  of a host name; null asks the name service */
    public function __construct(private string $start, private ?Closure $addresses = null)
    {
    }

    /**
     * @return string|null the address of the host to ask, "" for the site's own, which is found as ever; null
     *     where it is not to be asked
     */
    public function at(string $url): ?string
    {
        $parts = parse_url($url);
        $host = strtolower(trim((string) ($parts['host'] ?? ''), '[]'));
        $scheme = strtolower((string) ($parts['scheme'] ?? ''));
        if (! in_array($scheme, ['http', 'https'], true) || $host === '') {
            return null;
        }
        $port = $parts['port'] ?? ($scheme === 'https' ? 443 : 80);
        $own = parse_url($this->start, PHP_URL_PORT);
        if (self::bare($host) === self::bare((string) parse_url($this->start, PHP_URL_HOST))) {
            return in_array($port, [...self::PORTS, $own], true) ? '' : null;
        }
        $found = filter_var($host, FILTER_VALIDATE_IP) === false ? $this->addresses($host) : [$host];
        foreach ($found as $address) {
            if (! self::isPublic($address)) {
                return null;
            }
        }

        return in_array($port, self::PORTS, true) ? $found[0] ?? null : null;
    }

    private static function isPublic(string $address): bool
    {
        $bytes = (string) @inet_pton($address);
        foreach (self::CARRYING as $beginning) {
            if (strlen($bytes) === 16 && str_starts_with($bytes, $beginning)) {
                return false;
            }
        }

        return filter_var($address, FILTER_VALIDATE_IP, FILTER_FLAG_GLOBAL_RANGE) !== false;
    }

    private static function bare(string $host): string
    {
        $host = strtolower($host);

        return str_starts_with($host, 'www.') ? substr($host, 4) : $host;
    }

    /** @return list<string> */
    private function addresses(string $host): array
    {
        if ($this->addresses !== null) {
            return ($this->addresses)($host);
        }
        $found = @gethostbynamel($host);

        return $found === false ? [] : $found;
    }
}
