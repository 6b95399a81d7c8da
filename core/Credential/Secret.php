<?php

declare(strict_types=1);

namespace Cellarium\Core\Credential;

/** Text that hides itself from dumps, messages, logs and serialisation; only reveal() gives it. */
final class Secret
{
    private const HIDDEN = '(hidden)';

    private const SHORTEST_REDACTED = 3;

    /** @var \WeakMap<self, string>|null kept outside the object, where no dump or cast looks */
    private static ?\WeakMap $texts = null;

    public function __construct(#[\SensitiveParameter] string $text)
    {
        self::$texts ??= new \WeakMap;
        self::$texts[$this] = $text;
    }

    public function reveal(): string
    {
        return self::$texts[$this] ?? throw new \LogicException('A secret does not survive copying.');
    }

    /**
     * Takes every secret that is in use in this process out of a text that came from elsewhere: servers repeat what
     * they
     * were told, in greetings and refusals, and what they say is kept and shown.
     *
     * Found in whatever case, and as base64, percent-encoded, or escaped for HTML and JSON. Secrets of one or two
     * characters are left: every second word would go.
     */
    public static function redact(string $text): string
    {
        foreach (self::$texts ?? [] as $secret) {
            if (strlen($secret) < self::SHORTEST_REDACTED) {
                continue;
            }
            $json = (string) json_encode($secret, JSON_INVALID_UTF8_SUBSTITUTE);
            $forms = [
                $secret,
                base64_encode($secret),
                rtrim(base64_encode($secret), '='),
                rawurlencode($secret),
                urlencode($secret),
                htmlspecialchars($secret),
                substr($json, 1, -1),
                bin2hex($secret),
            ];
            $text = str_ireplace(array_unique($forms), self::HIDDEN, $text);
        }

        return $text;
    }

    /** @return array<string, string> */
    public function __debugInfo(): array
    {
        return ['text' => 'hidden'];
    }

    public function __clone()
    {
        throw new \LogicException('A secret is not copied.');
    }

    public function __serialize(): array
    {
        throw new \LogicException('A secret is not serialised.');
    }
}
