<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** Names from a file in the form of hosts(5) first, then from the system. */
final class HostsFile implements NameService
{
    /** @var array<string, list<string>>|null */
    private ?array $names = null;

    public function __construct(private readonly ?string $file)
    {
    }

    public function addresses(string $host): array
    {
        $this->names ??= $this->read();
        $host = strtolower($host);
        if (isset($this->names[$host])) {
            return $this->names[$host];
        }
        if (filter_var($host, FILTER_VALIDATE_IP) !== false) {
            return [$host];
        }
        $found = @gethostbynamel($host);

        return $found === false ? [] : $found;
    }

    /** @return array<string, list<string>> */
    private function read(): array
    {
        $names = [];
        $lines = $this->file === null ? false : @file($this->file, FILE_IGNORE_NEW_LINES);
        foreach ($lines === false ? [] : $lines as $line) {
            $fields = preg_split('/\s+/', trim(preg_replace('/#.*/', '', $line) ?? ''), -1, PREG_SPLIT_NO_EMPTY);
            foreach (array_slice($fields === false ? [] : $fields, 1) as $name) {
                $names[strtolower($name)][] = $fields[0] ?? '';
            }
        }

        return $names;
    }
}
