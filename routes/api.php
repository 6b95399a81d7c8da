<?php

declare(strict_types=1);

use App\Http\Controllers\ApiPackageController;
use App\Models\TokenScope;
use Cellarium\Core\People\Permission;
use Illuminate\Support\Facades\Route;

/*
 * For programs, below /api. A token says for whom and for what; the person behind it needs the permission too.
 */
$token = static fn (TokenScope $scope) => Route::middleware([
    'throttle:120,1',
    "token:$scope->value",
    'can:'.Permission::Work->value,
]);

$token(TokenScope::DeliverPackages)->post('/packages', [ApiPackageController::class, 'deliver']);
$token(TokenScope::InspectPackages)->post('/inspections', [ApiPackageController::class, 'inspect']);
