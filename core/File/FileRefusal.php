<?php

declare(strict_types=1);

namespace Cellarium\Core\File;

/** Why a change by hand was not begun. */
enum FileRefusal: string
{
    case ChangedMeanwhile = 'changed_meanwhile';
    case NoLongerThere = 'no_longer_there';
    case SomethingThere = 'something_there';
    case NotAFile = 'not_a_file';
    case IntoItself = 'into_itself';
    case NotEmpty = 'not_empty';
}
