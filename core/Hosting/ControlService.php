<?php

declare(strict_types=1);

namespace Cellarium\Core\Hosting;

use Cellarium\Core\Credential\Secret;
use Cellarium\Core\Json\JsonFields;
use Cellarium\Core\Web\ServiceCaller;

/** Questions to a host that speaks the control protocol, and its answers. */
final readonly class ControlService
{
    /** @param  non-empty-string  $base "https://control.host.example", without a slash at its end */
    public function __construct(
        private string $base,
        private Secret $token,
        private ServiceCaller $web,
    ) {
    }

    /**
     * @template T
     *
     * @param  \Closure(): T  $read  an answer; throws UnexpectedValueException where it is none
     * @return T
     *
     * @throws ControlFailure
     */
    public static function understood(string $what, \Closure $read): mixed
    {
        try {
            return $read();
        } catch (\UnexpectedValueException $wrong) {
            throw ControlFailure::while($what, ControlFault::NotUnderstood, $wrong->getMessage());
        }
    }

    /**
     * @param  string  $what  is being done, for the failure
     * @param  non-empty-string  $method
     * @param  array<string, mixed>|null  $body
     *
     * @throws ControlFailure
     */
    public function ask(
        string $what,
        string $method,
        string $path,
        #[\SensitiveParameter] ?array $body = null,
    ): JsonFields {
        $got = $this->web->call(
            $method,
            "$this->base$path",
            $this->token,
            $body === null ? null : new Secret(json_encode($body, JSON_THROW_ON_ERROR | JSON_UNESCAPED_SLASHES)),
        );
        if ($got->status === 0) {
            throw ControlFailure::while(
                $what,
                $got->tooLong ? ControlFault::NotUnderstood : ControlFault::Unreachable,
                (string) $got->error,
            );
        }
        if ($got->status < 200 || ($got->status >= 300 && $got->status < 400)) {
            // The token is for the address that a person has typed, and for no other.
            throw ControlFailure::while($what, ControlFault::NotUnderstood, $got->location === null
                ? "it answers $got->status"
                : "it leads to $got->location, which is not followed. If that is right, put it into the settings of "
                    .'the account');
        }
        if ($got->status === 204) {
            return new JsonFields([]);
        }
        try {
            $answer = JsonFields::fromJson($got->head);
            if ($got->status >= 400) {
                throw ControlFailure::while(
                    $what,
                    ControlFault::tryFrom($answer->text('error')) ?? ControlFault::NotUnderstood,
                    $answer->text('message'),
                );
            }

            return $answer;
        } catch (\UnexpectedValueException $wrong) {
            throw ControlFailure::while($what, ControlFault::NotUnderstood, $wrong->getMessage());
        }
    }
}
