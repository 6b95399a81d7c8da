<?php

declare(strict_types=1);

namespace App\Work;

use Illuminate\Support\Str;

/** The name under which a task is kept in the queue and in tables: find_root is FindRoot, in whichever room it is. */
final class TaskName
{
    /** @param  class-string<Task>  $task */
    public static function forTask(string $task): string
    {
        return Str::snake(class_basename($task));
    }

    /**
     * @return class-string<Task>
     *
     * @throws \LogicException where no room has one of that name, or more than one has
     */
    public static function find(string $name): string
    {
        $found = [];
        if (preg_match('/\A[a-z]+(?:_[a-z]+)*\z/', $name) === 1) {
            foreach (glob(app_path('*/'.Str::studly($name).'.php')) ?: [] as $file) {
                $class = 'App\\'.basename(dirname($file)).'\\'.basename($file, '.php');
                is_a($class, Task::class, true) && $found[] = $class;
            }
        }

        return count($found) === 1 ? $found[0] : throw new \LogicException("Not one task is called \"$name\".");
    }
}
