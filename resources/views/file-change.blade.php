<x-page :title="$change->title" place="Accounts">
    <x-slot:where>@include('parts.files-where')</x-slot:where>
    @include('parts.file-change')
</x-page>
