<?php

declare(strict_types=1);

namespace Cellarium\Core\Storage;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Json\JsonFields;

/** The address of a store that speaks S3, and the keys to it. */
final readonly class S3Settings
{
    /**
     * @param  string  $endpoint  URL
     * @param  string  $prefix  before all names, as "cellarium/"; may be empty
     */
    public function __construct(
        public string $endpoint,
        public string $region,
        public string $bucket,
        public string $prefix,
        public string $key,
        public Secret $secret,
    ) {
    }

    /** @return array<string, string> */
    public function reveal(): array
    {
        return [
            'endpoint' => $this->endpoint,
            'region' => $this->region,
            'bucket' => $this->bucket,
            'prefix' => $this->prefix,
            'key' => $this->key,
            'secret' => $this->secret->reveal(),
        ];
    }

    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->text('endpoint'),
            $fields->text('region'),
            $fields->text('bucket'),
            $fields->text('prefix'),
            $fields->text('key'),
            new Secret($fields->text('secret')),
        );
    }
}
