<?php

declare(strict_types=1);

namespace Cellarium\Core\Credential;

/** Text that hides itself from dumps, messages, logs and serialisation; only reveal() gives it. */
final class Secret
{
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
