<?php

namespace Tests\Feature;

use App\Track\Unit;
use Illuminate\Http\UploadedFile;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

final class ReceivingTest extends TestCase
{
    public function test_a_core_is_priced_line_by_line(): void
    {
        // lowest core charge of the family 380, dust shield 28.50, 1.5 h at 100
        $this->receive()->assertCreated()->assertJsonPath('credit', 380 - 28.5 - 150)->assertJsonPath('station', 'identify');
        $this->assertSame('98000 km', $this->unit()->odometer_typed);
    }

    public static function badIntakes(): array
    {
        return [
            'VIN with a wrong check digit' => [['vin' => '3XYRN25D8A8654321'], '/vin', 'check digit'], 'short VIN' => [['vin' => '3XYRN25D9'], '/vin', '17 characters'], 'letter O' => [['vin' => '3XYRN25D9A8654O21'], '/vin', 'never I, O or Q'],
            'odometer in the wrong kind' => [['odometer' => '12 psi'], '/odometer', 'pressure'], 'impossible odometer' => [['odometer' => '99999999 km'], '/odometer', '3,000,000'], 'decimal comma' => [['odometer' => '98,5 km'], '/odometer', 'point'],
            'weight as torque' => [['weight' => '80 Nm'], '/weight', 'torque'], 'unknown part' => [['missing' => [['part' => 'NOPE']]], '/missing/0/part', 'no part'], 'unknown customer' => [['customer' => 'NOBODY'], '/customer', 'no customer'],
            'negative hours' => [['repairHours' => -1], '/repairHours', 'at least 0'], 'grade E' => [['grade' => 'E'], '/grade', 'grade'], 'own unit without customer' => [['ownership' => 'customer', 'customer' => null], '/customer', 'needs the customer'], 'odd tag' => [['coreTag' => 'c 1!'], '/coreTag', 'capital letters'],
        ];
    }

    #[DataProvider('badIntakes')]
    public function test_bad_input_is_named_at_its_field_and_nothing_is_stored(array $change, string $pointer, string $part): void
    {
        $this->assertProblem($this->receive('C-9001', $change), 422, $part, $pointer);
        $this->assertSame(0, Unit::query()->count());
    }

    public function test_a_tag_is_used_once(): void
    {
        $this->receive()->assertCreated();
        $this->assertProblem($this->receive(), 422, 'already on another core', '/coreTag');
    }

    public function test_missing_complaint_and_missing_diagnosis_hold_the_unit(): void
    {
        $card = $this->receive('C-9001', ['complaint' => '', 'sender' => 'shop'])->assertCreated();
        $this->assertSame(['complaint-missing', 'diagnosis-missing'], array_column($card->json('holds'), 'kind'));
        $hold = $card->json('holds.0.id');
        $this->as('receiver')->write("/holds/$hold/lift", ['reason' => 'x'])->assertForbidden();
        $this->as('manager')->write("/holds/$hold/lift", ['reason' => 'Owner asked by phone'])->assertOk();
        $this->assertProblem($this->write("/holds/$hold/lift", ['reason' => 'again']), 409, 'already lifted');
    }

    public function test_a_refused_core_earns_nothing_and_is_closed(): void
    {
        $this->receive('C-9001', ['grade' => 'X'])->assertCreated()->assertJsonPath('credit', 0)->assertJsonPath('station', 'closed');
    }

    public function test_photos_are_checked_and_reencoded_without_location(): void
    {
        $this->receive()->assertCreated();
        $send = fn (UploadedFile $file) => $this->as('receiver')->post('/api/units/C-9001/photos', ['photo' => $file, 'place' => 'pan'], ['Idempotency-Key' => uniqid(), 'Accept' => 'application/json']);
        $image = imagecreatetruecolor(400, 300);
        ob_start();
        imagejpeg($image);
        $jpeg = (string) ob_get_clean();
        // a hand-made Exif block (orientation 6: turn right) behind the start-of-image marker
        $exif = "Exif\0\0II*\0\x08\0\0\0\x01\0\x12\x01\x03\0\x01\0\0\0\x06\0\0\0\0\0\0\0";
        $with = substr($jpeg, 0, 2)."\xFF\xE1".pack('n', strlen($exif) + 2).$exif.substr($jpeg, 2);
        $photo = $send(UploadedFile::fake()->createWithContent('a.jpg', $with))->assertCreated();
        $this->assertSame([300, 400], [$photo->json('width'), $photo->json('height')], 'turned upright');
        $stored = (string) file_get_contents($this->get('/api/photos/'.$photo->json('id'))->baseResponse->getFile()->getPathname());
        $this->assertStringNotContainsString('Exif', $stored);
        foreach (['not a picture' => 'just text', 'picture cut off' => substr($jpeg, 0, 60), 'script' => '<?php echo 1;'] as $what => $content) {
            $this->assertProblem($send(UploadedFile::fake()->createWithContent('b.jpg', $content)), 422, 'picture', '/photo');
        }
        $this->assertProblem($send(UploadedFile::fake()->image('tiny.png', 4, 4)), 422, '16 pixels', '/photo');
    }

    public function test_two_people_on_one_card_are_told_of_each_other(): void
    {
        $this->receive()->assertCreated();
        $intake = fn (int $version, string $rack) => ['version' => $version, 'jobType' => 'rebuild', 'ownership' => 'exchange', 'family' => 'RD4', 'customer' => 'WS-LOW', 'grade' => 'B', 'rack' => $rack, 'complaint' => 'No third', 'repairHours' => 0, 'missing' => [], 'failedHard' => [], 'codes' => [], 'clues' => []];
        $this->write('/units/C-9001/intake', $intake(1, 'R1'), null, 'PUT')->assertOk()->assertJsonPath('version', 2);
        $conflict = $this->write('/units/C-9001/intake', $intake(1, 'R2'), null, 'PUT');
        $this->assertProblem($conflict, 409, 'Somebody else changed');
        $this->assertSame(['R1', 'R2'], [$conflict->json('current.rack'), $conflict->json('yours.rack')]);
        $this->assertSame('R1', $this->unit()->rack);
    }

    public function test_trays_belong_to_one_unit(): void
    {
        $this->receive('C-9001');
        $this->receive('C-9002');
        $this->write('/units/C-9001/trays', ['tag' => 'T-1', 'items' => [['name' => 'check balls', 'count' => 8]]])->assertCreated()->assertJsonPath('intake.baskets.0.items.0.count', 8);
        $this->assertProblem($this->write('/units/C-9002/trays', ['tag' => 'T-1', 'items' => [['name' => 'x', 'count' => 1]]]), 422, 'another unit', '/tag');
    }
}
