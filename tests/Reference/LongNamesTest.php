<?php

declare(strict_types=1);

use App\PrintRoom\Card;
use App\PrintRoom\CardPdf;
use Vantrel\Core\Accounts\Way;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\Paper;

/**
 * Among the longest names of thirty naming traditions: compound and hyphenated, of several given names, with particles,
 * patronymics, clan and house names; in the script they are written in and as offices romanise them. Made-up people;
 * that such names are formed so is common practice, no source.
 */
const LONG_NAMES = [
    'English' => 'Bartholomew-Maximilian Featherstonehaugh Cholmondeley-Warner',
    'Scots' => 'Alasdair Fionnlagh MacGillechallum of Raasay',
    'Welsh' => 'Rhydderch Llywelyn ap Gruffudd Fychan Cadwaladr',
    'Irish' => 'Caoimhghín Séamus Ó Maoilsheachlainn',
    'Dutch' => 'Wilhelmina Geertruida van der Wouden-van Reenen',
    'German' => 'Maximiliane Leutheusser-von Hohenzollern-Brandt',
    'Spanish' => 'María de la Concepción Fernández de Córdoba y Álvarez',
    'Portuguese' => 'João Guilherme de Albuquerque Cavalcanti dos Santos',
    'Catalan' => 'Montserrat Puigdefàbregas i Castellarnau de Vilafranca',
    'French' => 'Marie-Françoise-Élisabeth de La Rochefoucauld-Montbel',
    'Italian' => 'Alessandro Bartolomeo della Gherardesca di Castagneto',
    'Polish' => 'Władysława Krzyżanowska-Brzęczyszczykiewicz',
    'Hungarian' => 'Szentgyörgyi-Kőszegváry Boldizsár Zsigmond',
    'Romanian' => 'Constantin-Alexandru Brâncoveanu-Văcărescu',
    'Icelandic' => 'Þorbjörg Ingibjörg Steingrímsdóttir Þorvaldsson',
    'Finnish' => 'Kaarlo Olavi Väinämöinen-Pohjanpalo',
    'Lithuanian' => 'Aleksandrina Kazlauskaitė-Petrauskienė',
    'Ukrainian' => 'Всеволод-Володимир Святославович Красногородський-Нечуй',
    'Russian' => 'Константин Александрович Рождественский-Преображенский',
    'Greek' => 'Αναστασία-Ευαγγελία Παπαδημητρακοπούλου-Χατζηκωνσταντίνου',
    'Arabic' => 'عبد الرحمن بن محمد بن عبد العزيز آل الشيخ',
    'Arabic, romanised' => 'Abdulrahman bin Mohammed bin Abdulaziz Al-Qahtani',
    'Persian' => 'Mohammad-Hossein Tabatabaei-Yazdi Khorasani',
    'Turkish' => 'Mehmet Alparslan Karaosmanoğlu-Yılmazerdem',
    'Tamil' => 'Venkatanarasimharajuvaripeta Subramaniam Krishnaswamy',
    'Thai, romanised' => 'Phongsakorn Wongprasertsakunchai na Ayutthaya',
    'Malagasy' => 'Andriamahefarivo Rakotomalalanirina Razafindrakoto',
    'Hawaiian' => 'Kekauʻōnohi Keihanaikukauakahihuliheʻekahaunaele',
    'Yoruba' => 'Oluwafunmilayo Adebisi Ogunmodede-Akinwunmi',
    'Vietnamese' => 'Công Tằng Tôn Nữ Phương Hồng Thảo',
    'Chinese' => '歐陽淑儀 Ouyang Shuyi Elizabeth',
    'Sri Lankan' => 'Warnakulasuriya Patabendige Ushantha Joseph Fernando',
];

it('fits every such name on every layout, all of it, or asks', function (CardLayout $layout): void {
    $paper = Paper::of($layout);
    $pdf = new CardPdf($paper, 'Lanternfield Primary School', 'vantrel.lanternfield.example');
    $cards = [];
    foreach (array_values(LONG_NAMES) as $i => $name) {
        $cards[] = new Card(
            $name,
            'N. H.',
            '3 Heron',
            "pupil.$i",
            'maple otter candy',
            "https://v.example/b#$i",
            Way::Passphrase,
        );
    }
    $asked = array_map(fn(Card $c): string => $c->name, $pdf->misfits($cards));
    $fit = array_values(array_filter($cards, fn(Card $c): bool => !in_array($c->name, $asked, true)));
    expect(count(LONG_NAMES))->toBeGreaterThanOrEqual(30);
    expect($fit)->not->toBeEmpty();
    $file = scratch() . '/names.pdf';
    file_put_contents($file, $pdf->of($fit));
    $text = outside(['pdftotext', '-raw', $file, '-']);
    foreach ($fit as $card) {
        // Over two lines or one, no letter is missing; what is joined or runs from the right is looked at by eye.
        if (preg_match('/\p{Arabic}/u', $card->name) !== 1) {
            foreach (preg_split('/[\s\-]+/u', $card->name) ?: [] as $part) {
                expect($text)->toContain($part);
            }
        }
    }
    // Shortened, each of them fits.
    $pdf = new CardPdf($paper, 'Lanternfield Primary School', 'vantrel.lanternfield.example');
    expect($pdf->misfits(array_map(fn(Card $c): Card => $c->shortened(), $cards)))->toBe([]);
})->with(
    fn(): array => array_values(array_filter(CardLayout::cases(), fn(CardLayout $l): bool => $l !== CardLayout::Own)),
);

it('asks about a tenth of them at most on cards of the usual size', function (): void {
    foreach ([CardLayout::A4x8, CardLayout::A4, CardLayout::Letter] as $layout) {
        $pdf = new CardPdf(Paper::of($layout), 'Lanternfield Primary School', 'vantrel.lanternfield.example');
        $cards = array_map(
            fn(string $name): Card => new Card(
                $name,
                'N.',
                '3 Heron',
                'pupil',
                'maple otter candy',
                'https://v',
                Way::Passphrase,
            ),
            array_values(LONG_NAMES),
        );
        expect(count($pdf->misfits($cards)))->toBeLessThanOrEqual(3, $layout->value);
    }
});
