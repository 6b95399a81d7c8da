<x-page :title="'Over time: '.$site->domain" place="Accounts" wide>
    <x-slot:where><x-site-where :site="$site" here="over time" /></x-slot:where>
    @include('parts.over-time')
</x-page>
