<?php

declare(strict_types=1);

namespace Cellarium\Core\Connection;

/** Why something on a server did not come about. */
enum FailureReason: string
{
    case NameUnknown = 'name_unknown';
    case Unreachable = 'unreachable';
    case EncryptionRefused = 'encryption_refused';
    case EncryptionDemanded = 'encryption_demanded';
    case CertificateUntrusted = 'certificate_untrusted';
    case IdentityUnseen = 'identity_unseen';
    case IdentityChanged = 'identity_changed';
    case SignInRefused = 'sign_in_refused';
    case KeyNeeded = 'key_needed';
    case TooManyConnections = 'too_many_connections';
    case DataRefused = 'data_refused';
    case TooMuch = 'too_much';
    case NotFound = 'not_found';
    case Forbidden = 'forbidden';
    case NoSpace = 'no_space';
    case Disconnected = 'disconnected';
    case TimedOut = 'timed_out';
    case Incomplete = 'incomplete';
    case NotUnderstood = 'not_understood';
    case LocalFile = 'local_file';

    /** Whether trying again soon may help; a refused password never is tried again, hosts lock accounts out. */
    public function isTransient(): bool
    {
        return in_array(
            $this,
            [self::Disconnected, self::TimedOut, self::TooManyConnections, self::DataRefused, self::Unreachable],
            true,
        );
    }

    /** Whether it says something of one file, so that others may still be done. */
    public function isOfOneFile(): bool
    {
        return in_array($this, [self::NotFound, self::Forbidden, self::Incomplete, self::NotUnderstood], true);
    }

    public function sentence(): string
    {
        return match ($this) {
            self::NameUnknown => 'the name does not resolve to an address',
            self::Unreachable => 'nothing answers at this address and port',
            self::EncryptionRefused => 'the server offers no encryption',
            self::EncryptionDemanded => 'the server takes no sign-in without encryption',
            self::CertificateUntrusted => 'the certificate could not be verified',
            self::IdentityUnseen => 'nobody has accepted the key of this server yet',
            self::IdentityChanged => 'the server shows another key than the one that was accepted',
            self::SignInRefused => 'the sign-in was refused',
            self::KeyNeeded => 'the server takes no password, only a key',
            self::TooManyConnections => 'the server takes no more connections just now',
            self::DataRefused => 'the connection for the data did not come about',
            self::TooMuch => 'it is more than is taken in at once',
            self::NotFound => 'it is not there',
            self::Forbidden => 'the server does not allow it',
            self::NoSpace => 'the account is full',
            self::Disconnected => 'the connection broke off',
            self::TimedOut => 'the server stopped answering',
            self::Incomplete => 'what the server holds is not as long as what was sent or promised',
            self::NotUnderstood => 'the answer of the server was not understood',
            self::LocalFile => 'a file of our own could not be read or written',
        };
    }

    public function nextStep(): string
    {
        return match ($this) {
            self::NameUnknown => 'Check the spelling of the host, or give the address from the provider.',
            self::Unreachable => 'Check host and port; FTP and FTP over TLS use 21, implicit TLS 990, SFTP 22.',
            self::EncryptionRefused => 'Ask the provider for TLS, or choose plain FTP for this account knowingly.',
            self::EncryptionDemanded => 'Choose FTP over TLS for this account.',
            self::CertificateUntrusted => 'Compare the host name with the one in the certificate, and ask the '
                .'provider.',
            self::IdentityUnseen => 'Compare its fingerprint with the one the provider tells, and accept it.',
            self::IdentityChanged => 'Nothing was sent. Ask the provider whether they changed it, compare the '
                .'fingerprints, and accept the new one only if they match.',
            self::KeyNeeded => 'Put the private key that the provider knows into the account.',
            self::SignInRefused => 'Check login and password; many hosts want the login with its domain.',
            self::TooManyConnections => 'Wait a moment and try again with fewer connections.',
            self::DataRefused => 'Ask the provider whether the passive ports are open and which TLS versions the data '
                .'connections take.',
            self::TooMuch => 'Look whether the directory lists itself; raise the limit in the settings if it really '
                .'is this large.',
            self::NotFound => 'Look at the directory; it may have been moved.',
            self::Forbidden => 'Check the permissions and which directory this login may write to.',
            self::NoSpace => 'Make room in the account or ask for more space, then try again.',
            self::Disconnected, self::TimedOut => 'Try again; if it happens again, ask the provider.',
            self::Incomplete => 'Ask the provider about faults of their storage; nothing this server confirms can be '
                .'relied on until then.',
            self::NotUnderstood => 'Send the words of the server to whoever looks after Cellarium.',
            self::LocalFile => 'Check the space and permissions of the disk that Cellarium keeps its files on.',
        };
    }
}
