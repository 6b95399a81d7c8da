<?php

declare(strict_types=1);

namespace Cellarium\Core\Sheet;

use Cellarium\Core\Json\JsonFields;

/**
 * A sheet with a signature over its facts, as it leaves the house: Ed25519 (RFC 8032) over their canonical JSON
 * (RFC 8785), both in one JSON file.
 */
final readonly class SignedSheet
{
    private const ALGORITHM = 'Ed25519';

    /** No sheet is longer; what is given to be checked may come from anybody. */
    private const LONGEST = 8_000_000;

    /**
     * @param  string  $key  public, base64
     * @param  string  $signature  base64
     * @param  \stdClass  $facts  that it is over, as they stand in the file
     */
    private function __construct(
        public ClientSheet $sheet,
        public string $key,
        public string $signature,
        private \stdClass $facts,
    ) {
    }

    public static function sign(ClientSheet $sheet, SheetKey $key): self
    {
        $facts = json_decode(json_encode($sheet->toArray(), JSON_THROW_ON_ERROR), false, 40, JSON_THROW_ON_ERROR);
        assert($facts instanceof \stdClass);

        return new self($sheet, $key->public(), base64_encode($key->sign(CanonicalJson::encode($facts))), $facts);
    }

    /**
     * What a file holds; nothing is said yet of whether it is true.
     *
     * @throws SheetRefused
     */
    public static function fromJson(string $json): self
    {
        strlen($json) <= self::LONGEST || throw SheetRefused::notOne('it is longer than any sheet');
        try {
            $all = json_decode($json, false, 40, JSON_THROW_ON_ERROR);
            $facts = $all instanceof \stdClass ? $all->sheet ?? null : null;
            $facts instanceof \stdClass || throw new \UnexpectedValueException('it holds no sheet');
            $fields = JsonFields::fromJson($json);
            $signed = $fields->fields('signature');
            $signed->text('algorithm') === self::ALGORITHM
                || throw new \UnexpectedValueException('it is signed in a way that is not known here');

            return new self(
                ClientSheet::fromFields($fields->fields('sheet')),
                $signed->text('key'),
                $signed->text('value'),
                $facts,
            );
        } catch (\JsonException $wrong) {
            throw SheetRefused::notOne('it is not JSON', $wrong);
        } catch (\UnexpectedValueException|\InvalidArgumentException $wrong) {
            throw SheetRefused::notOne($wrong->getMessage(), $wrong);
        }
    }

    /** As it leaves the house. */
    public function toJson(): string
    {
        return json_encode([
            'sheet' => $this->facts,
            'signature' => ['algorithm' => self::ALGORITHM, 'key' => $this->key, 'value' => $this->signature],
        ], JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR)."\n";
    }

    /**
     * @param  string  $trusted  the public key of whom it must come from, base64
     *
     * @throws SheetRefused when it was altered, or somebody else has signed it
     */
    public function verify(string $trusted): void
    {
        [$key, $signature] = [base64_decode($this->key, true), base64_decode($this->signature, true)];
        $key !== false && strlen($key) === SODIUM_CRYPTO_SIGN_PUBLICKEYBYTES
            && $signature !== false && strlen($signature) === SODIUM_CRYPTO_SIGN_BYTES
            || throw SheetRefused::notOne('its signature is not whole');
        try {
            $facts = CanonicalJson::encode($this->facts);
        } catch (\UnexpectedValueException $wrong) {
            throw SheetRefused::notOne($wrong->getMessage(), $wrong);
        }
        sodium_crypto_sign_verify_detached($signature, $facts, $key) || throw SheetRefused::altered();
        hash_equals(base64_decode($trusted, true) ?: '', $key) || throw SheetRefused::foreign($this->key);
    }
}
