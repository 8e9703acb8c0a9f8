<?php

declare(strict_types=1);

use Vantrel\Core\Table\Lettering;

// The encodings are iconv's; the names are written from memory, as people of each language write them.
it('takes the bytes of a file for the letters they were', function (string $encoding, string $text): void {
    $bytes = (string) iconv('UTF-8', $encoding, $text);
    expect(Lettering::read($bytes)->text)->toBe($text);
    // With the ends of lines of Windows.
    expect(Lettering::read(str_replace("\n", "\r\n", $bytes))->text)->toBe(str_replace("\n", "\r\n", $text));
})->with([
    'Spanish' => ['WINDOWS-1252', "Nombre,Apellido\nÁngel,Peña\nMaría José,Núñez\n"],
    'Spanish ordinals and hardly a letter' => [
        'WINDOWS-1252',
        "Nº;Grado;Teléfono\n1;5º;(231) 555-0157\n2;1ª;(231) 555-0158\n",
    ],
    'French numbers' => ['WINDOWS-1252', "N°;Élève;Classe\n1;Lefèvre Zoé;3ème A\n2;Roy Ève;1ère – B\n"],
    'signs only' => ['WINDOWS-1252', "Name;Price\nAda Quill;3 €\nBo Larch;4 £ “net”\nCleo Marsh;½\n"],
    'French' => ['WINDOWS-1252', "Prénom;Nom\nZoé;Lefèvre\nFrançois;Œuvrard\nNoël;D’Aubigné\n"],
    'one German name' => ['WINDOWS-1252', "Name;Klasse\nMüller, Tim;3b\n"],
    'Portuguese' => ['WINDOWS-1252', "Nome;Apelido\nJoão;Simões\nConceição;Gusmão\n"],
    'Icelandic' => ['WINDOWS-1252', "Nafn\nÞóra Guðmundsdóttir\nÝmir Ægisson\n"],
    'Danish' => ['WINDOWS-1252', "Navn\nSøren Ærø\nÅse Bjørn\n"],
    'Spanish of an old Mac' => ['MACINTOSH', "Nombre,Apellido\nÁngel,Peña\nMaría José,Núñez\n"],
    'Spanish of an old Mac with its own ends of lines' => ['MACINTOSH', "Nombre,Apellido\rÁngel,Peña\rLucía,Núñez\r"],
    'Spanish of DOS' => ['CP850', "Nombre,Apellido\nMaría José,Peña\nAndrés,Núñez\n"],
    'Polish' => ['WINDOWS-1250', "Nazwisko;Imię\nŻółkiewska;Łucja\nŚwierczyński;Błażej\n"],
    'Polish of a Unix system' => ['ISO-8859-2', "Nazwisko;Imię\nŻółkiewska;Łucja\nŚwierczyński;Błażej\n"],
    'Czech' => ['WINDOWS-1250', "Příjmení;Jméno\nDvořák;Jiří\nNěmcová;Anežka\n"],
    'one Hungarian name' => ['WINDOWS-1250', "Név;Osztály\nErdős Anna;3.b\n"],
    'Turkish' => ['WINDOWS-1254', "Soyadı;Adı\nYılmaz;İpek\nÇelik;Oğuz\nŞahin;Gül\n"],
    'Ukrainian' => ['WINDOWS-1251', "Прізвище;Ім’я\nІваненко;Олег\nЇжакевич;Ґалаґан\n"],
    'Ukrainian in capitals' => ['WINDOWS-1251', "ПРІЗВИЩЕ;ІМЕНА\nІВАНЕНКО;ОЛЕГ\n"],
    'Ukrainian of a Unix system' => ['KOI8-U', "Прізвище;Клас\nІваненко Олег;3\nЇжакевич Анна;4\n"],
    'Russian of DOS' => ['CP866', "Фамилия;Имя\nИванова;Анна\nСидоров;Олег\n"],
    'Greek' => ['WINDOWS-1253', "Επώνυμο;Όνομα\nΠαπαδοπούλου;Μαρία\nΝικολάου;Γιώργος\n"],
    'Hebrew' => ['WINDOWS-1255', "שם פרטי,שם משפחה\nנועה,לוי\nאיתן,כהן\n"],
    'Arabic' => ['WINDOWS-1256', "الاسم الأول,اسم العائلة\nليلى,حداد\nعمر,نصار\n"],
    'Chinese' => ['GB18030', "姓名,年级,家长\n李小龙,四年级,李建国\n王美玲,三年级,王建国\n"],
    'Chinese of Taiwan' => ['BIG5', "姓名,年級,家長\n陳美玲,四年級,陳建國\n林志強,三年級,林雅婷\n"],
    'Korean' => ['CP949', "성명,학년,보호자\n김하늘,3,김철수\n이서준,4,박영희\n"],
    'Japanese' => ['CP932', "氏名,ふりがな\n佐藤 花,さとう はな\n鈴木 大輔,すずき だいすけ\n"],
]);

it('says what it took them for where there is a doubt', function (): void {
    $note = fn(string $encoding, string $text): string => Lettering::read(
        (string) iconv('UTF-8', $encoding, $text),
    )->note();
    expect($note('WINDOWS-1251', "Прізвище\nІваненко\n"))
        ->toContain('Cyrillic (Windows-1251)')
        ->and($note('WINDOWS-1252', "Nom\nLefèvre\n"))
        ->toBe('')
        ->and(Lettering::read("Nom\nLefèvre\n")->note())
        ->toBe('');
});

it('reads what is no text of any of them without losing its plain letters', function (): void {
    $read = Lettering::read("Name,Grade\nAda \x81\xFF\x00Quill,3\n");
    expect($read->text)->toContain('Name,Grade')->toContain('Quill,3');
});

it('finds the one name that tells in a long list', function (): void {
    $plain = str_repeat("Ada,Quill,3\n", 5000);
    expect(Lettering::read($plain . iconv('UTF-8', 'WINDOWS-1250', "Łukasz,Żak,3\n") . $plain)->text)->toContain(
        'Łukasz,Żak',
    );
});

it('keeps a Unicode text that has a few bytes of another', function (): void {
    $text = "Прізвище;Імʼя\nІваненко;Олег\nСидоренко;Анна\nГончар;Ірина\n";
    expect(Lettering::read($text . iconv('UTF-8', 'WINDOWS-1252', "Lefèvre;Zoé\n"))->text)->toBe(
        "{$text}Lefèvre;Zoé\n",
    );
});
