<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Words\Count;

/** The proof of a change through the site's own address. */
final readonly class SheetProof
{
    /**
     * @param  int  $addresses  that the change could be seen at
     * @param  int  $fetched  of them
     * @param  int  $held  of these, that showed what they should
     * @param  int  $readBack  files without an address that were read back from the server
     */
    public function __construct(
        public int $addresses,
        public int $fetched,
        public int $held,
        public int $readBack,
    ) {
    }

    public function sentence(): string
    {
        $words = match (true) {
            $this->fetched === 0 => 'no address fetched',
            $this->held < $this->fetched => "$this->held of $this->fetched addresses as they should be",
            $this->fetched < $this->addresses => "$this->fetched of $this->addresses addresses fetched, all as sent",
            default => Count::words($this->fetched, 'address', 'addresses').' fetched, as sent',
        };

        return $words.($this->readBack === 0 ? '' : ", $this->readBack files read back");
    }

    /** @return array<string, int> */
    public function toArray(): array
    {
        return [
            'addresses' => $this->addresses,
            'fetched' => $this->fetched,
            'held' => $this->held,
            'read_back' => $this->readBack,
        ];
    }

    /** @throws \UnexpectedValueException */
    public static function fromFields(JsonFields $fields): self
    {
        return new self(
            $fields->number('addresses'),
            $fields->number('fetched'),
            $fields->number('held'),
            $fields->number('read_back'),
        );
    }
}
