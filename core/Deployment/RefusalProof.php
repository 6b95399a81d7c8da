<?php

declare(strict_types=1);

namespace Cellarium\Core\Deployment;

use Cellarium\Core\Json\JsonFields;

/** The proof that visitors are refused a file that lies in a directory they come to and is not meant for them. */
final readonly class RefusalProof
{
    /**
     * @param  string  $path  from where the run begins
     * @param  int  $status  0 where nothing came
     * @param  bool  $isPublic  whether visitors get the bytes that were sent
     * @param  string  $sha256  of these
     */
    public function __construct(
        public string $path,
        public string $url,
        public int $status,
        public bool $isPublic,
        public string $sha256,
    ) {
    }

    public function sentence(): string
    {
        return match (true) {
            $this->isPublic => "$this->url is public: everybody gets the bytes that were sent. Take it out of the "
                .'document root, or have the web server refuse it (Require all denied, in .htaccess)',
            $this->status === 0 => "$this->url did not answer; whether it is public is not known",
            $this->status === 200 => "$this->url answers with something else; the bytes that were sent are not public",
            default => "$this->url is refused to visitors (status $this->status)",
        };
    }

    /** @return array{path: string, url: string, status: int, public: bool, sha256: string} */
    public function toArray(): array
    {
        return [
            'path' => $this->path,
            'url' => $this->url,
            'status' => $this->status,
            'public' => $this->isPublic,
            'sha256' => $this->sha256,
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('path'),
            $fields->text('url'),
            $fields->number('status'),
            $fields->flag('public'),
            $fields->text('sha256'),
        );
    }
}
