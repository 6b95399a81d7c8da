<?php

declare(strict_types=1);

namespace App\Sites;

use App\Models\Site;
use Cellarium\Core\Manifest\StartPages;
use Cellarium\Core\Path\PathRefused;
use Cellarium\Core\Path\PublicAddress;
use Cellarium\Core\Path\RelativePath;
use Cellarium\Core\Path\RemotePath;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Validator;
use Illuminate\Validation\Rule;

/** Reads and checks what is typed about a site; what comes out can be stored. */
final readonly class SiteForm
{
    /** A name of the domain name system, as RFC 1123 has it. */
    public const DOMAIN = '/\A(?=.{4,253}\z)([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z][a-z0-9-]{0,61}[a-z0-9]\z/';

    /** @return array<string, mixed> */
    public function values(Request $request, ?Site $site): array
    {
        $typed = $request->validate(
            [
                'domain' => [
                    'required',
                    'lowercase',
                    'regex:'.self::DOMAIN,
                    Rule::unique('sites', 'domain')->whereNull('removed_at')->ignore($site),
                ],
                'base_url' => [
                    'nullable',
                    'string',
                    'max:250',
                    static fn (string $name, mixed $value, \Closure $fail) => self::isBase((string) $value)
                    ?: $fail('The address is scheme and name, "https://site.example", without login and path.'),
                ],
                'document_root' => [
                    'required',
                    'string',
                    'max:1000',
                    static fn (string $name, mixed $value, \Closure $fail) => RemotePath::tryFromString(
                        (string) $value,
                    ) !== null
                    ?: $fail('The document root is a path from the top, "/htdocs", without "..".'),
                ],
                'application_root' => [
                    'nullable',
                    'string',
                    'max:1000',
                    static fn (string $name, mixed $value, \Closure $fail) => self::isAbove(
                        RemotePath::tryFromString((string) $value),
                        RemotePath::tryFromString($request->string('document_root')->toString()),
                    )
                    ?: $fail('The application begins in a directory above the document root, and not at "/".'),
                ],
                'aliases' => 'nullable|string|max:2000',
                'mounts' => 'nullable|string|max:4000',
                'start_pages' => 'required|string|max:500',
                'proof_decides' => 'nullable|integer|between:1,240',
                'shows_files' => 'nullable|boolean',
                'notes' => 'nullable|string|max:10000',
                'client' => ['nullable', 'integer', Rule::exists('clients', 'id')->whereNull('removed_at')],
            ],
            [
                'domain.regex' => 'A domain has letters, digits and hyphens, and at least one dot: "site.example".',
                'domain.unique' => 'This domain belongs to an account already.',
            ],
        );
        $aliases = self::lines($typed['aliases'] ?? '');
        Validator::make(
            ['aliases' => $aliases],
            ['aliases.*' => ['regex:'.self::DOMAIN]],
            ['aliases.*.regex' => 'Each alias is a domain, one a line: "www.site.example".'],
        )->validate();

        return [
            'domain' => $typed['domain'],
            'base_url' => rtrim($typed['base_url'] ?? '', '/') ?: "https://{$typed['domain']}",
            'document_root' => RemotePath::fromString($typed['document_root'])->toString(),
            'application_root' => isset($typed['application_root'])
                ? RemotePath::fromString($typed['application_root'])->toString()
                : null,
            'client_id' => isset($typed['client']) ? (int) $typed['client'] : null,
            'aliases' => $aliases,
            'notes' => trim($typed['notes'] ?? '') ?: null,
            'mounts' => $this->mounts($typed['mounts'] ?? ''),
            'proof_decides' => isset($typed['proof_decides']) ? (int) $typed['proof_decides'] : null,
            'shows_files' => (bool) ($typed['shows_files'] ?? false),
            'start_pages' => preg_split('/[\s,]+/', trim($typed['start_pages'])) ?: StartPages::USUAL,
        ];
    }

    private static function isAbove(?RemotePath $above, ?RemotePath $below): bool
    {
        return $above !== null && $below !== null && $above->depth() > 0 && $above->toward($below) !== null;
    }

    private static function isBase(string $value): bool
    {
        try {
            new PublicAddress($value, RemotePath::root());

            return true;
        } catch (\InvalidArgumentException) {
            return false;
        }
    }

    /** @return list<array{path: string, directory: string}> */
    private function mounts(string $typed): array
    {
        $mounts = [];
        $wrong = [];
        foreach (self::lines($typed) as $line) {
            $parts = preg_split('/\s+(?:=|->|→)?\s*/u', $line, 2) ?: [];
            try {
                $mounts[] = [
                    'path' => '/'.RelativePath::fromString(trim($parts[0] ?? '', '/'))->toString(),
                    'directory' => RemotePath::fromString($parts[1] ?? '')->toString(),
                ];
            } catch (PathRefused) {
                $wrong[] = $line;
            }
        }
        Validator::make(
            ['mounts' => $wrong],
            ['mounts' => 'size:0'],
            [
                'mounts.size' => 'Each line is an address and its directory, "/blog /apps/blog". Not understood: '
                    .implode('; ', $wrong),
            ],
        )->validate();

        return $mounts;
    }

    /** @return list<string> */
    private static function lines(string $text): array
    {
        return array_values(
            array_filter(
                array_map(trim(...), preg_split('/\R/', $text) ?: []),
                static fn (string $line): bool => $line !== '',
            ),
        );
    }
}
