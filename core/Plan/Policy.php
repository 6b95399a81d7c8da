<?php

declare(strict_types=1);

namespace Cellarium\Core\Plan;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Path\PathPattern;
use Cellarium\Core\Path\PathPatterns;
use Cellarium\Core\Path\RelativePath;

/**
 * Rules for what a plan does with files that are on the server but not in the target, and what it never touches.
 *
 * Kept patterns are of paths below the document root. `exact` makes the server hold the target and nothing else,
 * which is what bringing a backup back means; kept patterns do not count then.
 */
final readonly class Policy
{
    public const HOST_FILES = ['.htaccess', '.htpasswd', '.user.ini', '.well-known/', 'cgi-bin/', 'error_log'];

    private PathPatterns $ofTheSite;

    private PathPatterns $ofTheHost;

    /**
     * @param  list<PathPattern>  $kept
     * @param  list<string>  $placeholders  paths recognised as the host's placeholder
     * @param  list<string>  $ours  paths the last deployment put there
     * @param  bool  $byHand  whether a person chose each file of the target, so that nothing of it is kept back
     * @param  list<string>  $asks  paths that are a question although the server is to hold the target and nothing
     *     else: what somebody changed since the step that is taken back
     * @param  string  $served  the directory visitors come in at, where the host's own files lie; "" is the top
     * @param  list<string>  $startPages  names in the order of the site; none where those on the server are no question
     */
    public function __construct(
        public array $kept = [],
        public array $placeholders = [],
        public array $ours = [],
        public bool $exact = false,
        public string $served = '',
        public bool $byHand = false,
        public array $asks = [],
        public array $startPages = [],
    ) {
        $this->ofTheSite = new PathPatterns($kept);
        $this->ofTheHost = new PathPatterns($this->hostFiles());
    }

    public function keeps(RelativePath $path): ?Why
    {
        return match (true) {
            $this->exact, $this->byHand => null,
            $this->ofTheSite->match($path->toString()) => Why::SiteSays,
            $this->ofTheHost->match($path->toString()) => Why::HostFile,
            default => null,
        };
    }

    /** @return list<PathPattern> */
    private function hostFiles(): array
    {
        return array_map(
            fn (PathPattern $pattern): PathPattern => $pattern->below($this->served),
            PathPattern::all(self::HOST_FILES),
        );
    }

    /**
     * @return array{
     *     kept: list<string>,
     *     placeholders: list<string>,
     *     ours: list<string>,
     *     exact: bool,
     *     served: string,
     *     by_hand: bool,
     *     asks: list<string>,
     *     start_pages: list<string>,
     * }
     */
    public function toArray(): array
    {
        return [
            'kept' => array_map(static fn (PathPattern $pattern): string => $pattern->pattern, $this->kept),
            'placeholders' => $this->placeholders,
            'ours' => $this->ours,
            'exact' => $this->exact,
            'served' => $this->served,
            'by_hand' => $this->byHand,
            'asks' => $this->asks,
            'start_pages' => $this->startPages,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            PathPattern::all($fields->texts('kept')),
            $fields->texts('placeholders'),
            $fields->texts('ours'),
            $fields->flag('exact'),
            $fields->textOrNull('served') ?? '',
            $fields->has('by_hand') && $fields->flag('by_hand'),
            $fields->has('asks') ? $fields->texts('asks') : [],
            $fields->has('start_pages') ? $fields->texts('start_pages') : [],
        );
    }
}
