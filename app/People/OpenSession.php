<?php

declare(strict_types=1);

namespace App\People;

use Carbon\CarbonImmutable;

/** One place where somebody is signed in. */
final readonly class OpenSession
{
    private const BROWSERS = [
        'Firefox' => 'Firefox/',
        'Edge' => 'Edg/',
        'Chromium' => 'Chrome/',
        'Safari' => 'Safari/',
        'curl' => 'curl/',
    ];

    private const SYSTEMS = [
        'Android' => 'Android',
        'an iPhone' => 'iPhone',
        'an iPad' => 'iPad',
        'Windows' => 'Windows',
        'a Mac' => 'Macintosh',
        'Linux' => 'Linux',
    ];

    public function __construct(
        public string $name,
        public string $address,
        private string $agent,
        public CarbonImmutable $lastSeen,
        public bool $isThis,
    ) {
    }

    /** With what, in the words people use; what the browser says of itself, which proves nothing. */
    public function words(): string
    {
        $browser = self::first(self::BROWSERS, $this->agent) ?? 'something';
        $system = self::first(self::SYSTEMS, $this->agent);

        return $system === null ? $browser : "$browser on $system";
    }

    /** @param  array<string, string>  $signs */
    private static function first(array $signs, string $agent): ?string
    {
        foreach ($signs as $name => $sign) {
            if (str_contains($agent, $sign)) {
                return $name;
            }
        }

        return null;
    }
}
