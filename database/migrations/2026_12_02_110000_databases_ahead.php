<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** What a plan says of the databases of its site before it begins. */
return new class extends Migration
{
    public function up(): void
    {
        Schema::table('deployments', static function (Blueprint $table): void {
            $table->string('databases_ahead', 500)->nullable();
        });
    }
};
