<?php

declare(strict_types=1);

namespace Cellarium\Core\Upload;

/** The header Upload-Metadata of tus 1.0: names, each with a value in Base64, between commas. */
final class UploadMetadata
{
    /**
     * @return array<string, string> values by their names
     *
     * @throws UploadRefused NotUnderstood
     */
    public static function parse(string $header): array
    {
        $values = [];
        foreach (trim($header) === '' ? [] : explode(',', $header) as $pair) {
            $parts = explode(' ', trim($pair), 2);
            $value = base64_decode($parts[1] ?? '', true);
            if ($parts[0] === '' || isset($values[$parts[0]]) || $value === false) {
                throw UploadRefused::because(UploadRefusal::NotUnderstood);
            }
            $values[$parts[0]] = $value;
        }

        return $values;
    }
}
