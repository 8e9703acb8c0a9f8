<?php

declare(strict_types=1);

namespace Vantrel\Core\Names;

/**
 * Forms of given names that stand for each other on lists: short forms, and the same name in another language or
 * script. Plain as {@see NameKey} leaves them. Common practice, no source; from memory.
 */
final class GivenNames
{
    /** One name a line, all its forms, a long line going on indented; a form may stand in several lines ("alex"). */
    private const FORMS = <<<'TEXT'
    abigail abby gail abbie
    abraham abe bram ibrahim avraham abram
    adam adan adem
    adrian adrien hadrian adriano
    agnes ines agnieszka nessa
    albert al bert bertie alberto
    alejandra sandra alexandra alessandra aleksandra oleksandra lexi lexie sasha alex ali allie
    alexander alex al alec xander sandy alejandro alexandre alessandro aleksander aleksandr oleksandr aleksandar sasha
        lex iskandar
    alfred fred alfie freddie alfredo
    alice ali allie alicia alisa alix
    amanda mandy manda
    amelia millie amy amalia emilia
    anastasia ana stacy stasia nastya anastasiya anastasiia
    andrew andy drew andre andres andrei andriy andrzej andreas anders andrea ondrej
    angela angie ange angelina
    ann anna anne annie ana hanna hannah nan anya anja ania
    anthony tony ant antonio antoine anton antoni
    arthur art artie arturo artur
    barbara barb babs barbie varvara basia
    bartholomew bart bartek
    beatrice bea trixie beatriz beatrix
    benjamin ben benny benji benjamim binyamin
    bernard bernie bernardo bernd
    bradley brad
    bridget bridie biddy brigid brigitte birgit
    cameron cam
    carolina caroline carrie lina carol karolina
    catherine cathy kate katie kathy kitty cat catalina katherine kathryn katarina katarzyna kateryna yekaterina
        ekaterina katya kasia katharina catherina caitlin katrin karen kathleen catarina
    cecilia cece celia cissy cecile
    charles charlie chuck chas carlos carlo karl carl karol charly
    charlotte lottie charlie lotte carlota charly
    christina chris tina christine cristina kristina kirsten chrissy krystyna khrystyna kristen christa
    christopher chris kit topher cristobal christophe kristoffer christoph krzysztof kris
    claire clara klara
    daniel dan danny daniil danylo danilo daniele
    daniela dani danielle daniella
    david dave davy dawid davide daoud dawud
    deborah deb debbie debra dvora
    dennis denis den denys
    dmitri dmytro dima dmitry dimitri dimitrios
    dominic dom nick dominik domingo
    donald don donnie
    dorothy dot dottie dolly dorothea dorota
    douglas doug
    edward ed eddie ted teddy ned eduardo edouard edvard
    eleanor ellie nell nora elle leonor eleonora elinor ella
    elena helen helena olena lena yelena alena elaine helene
    elizabeth liz beth betty lizzie eliza elsie lisa betsy libby isabel isabella bella elisabeth elisa yelyzaveta
        elzbieta elspeth bess ilse lise isabelle
    emanuel manny manuel emmanuel immanuel
    emily em emmy emilia millie emilie emma
    enrique henry hank harry henri henrik heinrich enzo harri heinz
    eric rick erik erich
    esther hester essie ester estera
    eugene gene eugenio yevhen evgeny yevgeny
    eva eve evie ava yeva ewa
    evelyn evie eve lynn evelina
    ezekiel zeke
    fatima fatma fatimah fatema
    felicity flick fliss
    florence flo florrie flossie
    frances fran frankie francesca francisca fanny franciszka franziska
    francis frank frankie fran francisco francesco francois paco pancho franciszek franz
    gabriel gabe gab jibril gavriel
    gabriela gabby gabi gabrielle gabriella
    geoffrey geoff jeff jeffrey
    george georgie jorge georges giorgio georg jerzy heorhii yuri yury jurgen joris
    gerald gerry jerry gerard gerardo
    grace gracie graciela
    gregory greg gregorio grzegorz hryhorii grigory
    guadalupe lupe lupita
    gwendolyn gwen wendy
    harold harry hal
    hassan hasan hassane
    hussein husayn hossein hussain husein
    ian iain john
    ignacio nacho ignatius ignacy
    isaac ike zak yitzhak izaak
    isaiah izzy
    jacob jake jack jacobo jakob jakub yakov yakiv jacques iago
    james jim jimmy jamie jaime diego santiago tiago
    jane janie jan juana joanna joan johanna jana jeanne janet ioanna
    jennifer jen jenny jenna
    jeremiah jerry jem jeremy
    jessica jess jessie jessika
    jesus chuy chucho
    john jack johnny jon juan jean johan johannes hans ivan giovanni jan yahya ioannis joao sean ian ivo
    jonathan jon jonny nathan yonatan
    joseph joe joey jose pepe giuseppe josef jozef yusuf youssef yosef josip osip yousef
    josephine jo josie josefina fina jozefa
    joshua josh josue yeshua
    judith judy jude judit
    julia julie jules giulia juliana yuliia yulia julita
    karim kareem
    katherine kat katya
    kenneth ken kenny
    khadija khadijah hadija
    laura laurie lora
    lawrence larry laurie laurence lorenzo lars laurent lorenz
    leonard leo len lenny leonardo leon lev
    leticia lety
    lillian lily lil lilly liliana
    louis lou louie luis luigi lewis ludwig ludovic luiz
    louise lou luisa luise lulu
    lucas luke luca luc lukas lukasz luka
    lucy lucia lucie luz lucja
    madeline maddie maddy magdalena lena madeleine magda
    margaret maggie meg peggy peg margie marge greta rita daisy margarita marguerite malgorzata gosia margot margareta
        gretchen
    maria mary marie mia molly mariya polly mariam maryam miriam marija mariia masha mimi maryam marya
    mark marc marco marcos marcus marek markus marko
    martha marta patty mattie
    martin marty martyn marcin martijn
    matilda tilly mattie tilda mathilde
    matthew matt matty mateo mathieu matteo matthias mateusz matthijs matvii matias
    maximilian max maximiliano maks maxim maksym maxime maksim
    megan meg meghan
    melissa mel missy lissa
    michael mike mikey mick mickey miguel michel michele mikhail mykhailo michal mikael mitch misha michail mihai mikail
    michelle shelly michele chelle
    mohammed muhammad mohamed mo mohammad muhammed mehmet mahamed mohamad mamadou
    mustafa mustapha moustafa
    nancy nan ann
    natalie nat natalia nataliya nataliia talia natasha natalya
    nathaniel nathan nate nat
    nicholas nick nicky nicolas nikolas nicolo mykola nikolai mikolaj claus klaus nikolaus nico niko nils colin
    nicole nikki nicky nicola nika
    oliver ollie olivier oliviero
    olivia liv livvy olive
    omar umar omer
    pamela pam
    patricia pat patty trish tricia patrycja patrizia
    patrick pat paddy patricio patryk patrice rick
    paul pablo paolo pavel pavlo pawel pauli pol paulo
    penelope penny nell
    peter pete pedro pierre pietro petro piotr petr pyotr pieter petros per
    philip phil pip felipe philippe filip filippo phillip
    priscilla cilla
    rachel rae rachelle raquel rahel
    raymond ray ramon raimundo raymundo
    rebecca becky becca rebeca rivka rebekah bex
    reginald reg reggie
    richard rick dick rich richie ricky ricardo riccardo ryszard
    robert rob bob bobby robbie bert roberto robin
    roger rog rogelio ruggero
    ronald ron ronnie ronaldo
    rosa rose rosie rosalie rosita roza rosemary rosario
    salvador sal chava salvatore
    samantha sam sammy
    samuel sam sammy samuele shmuel szymon
    sarah sara sally sadie zara sare
    sebastian seb bastian sebastien baz
    sergio serge sergei serhii sergey
    simon simeon szymon semyon shimon ximeno
    sofia sophie sophia zofia sofiya sofiia sonia sonya sofie
    stephanie steph stephania stefanie estefania fanny stefania
    stephen steve stevie steven stefan esteban etienne stepan stefano szczepan stephan
    susan sue susie suzy susanna suzanne susana zuzanna shoshana
    tatiana tanya tania tetiana tatyana
    theodore ted teddy theo fedor fyodor teodoro
    theresa terry tess tessa teresa therese resi
    thomas tom tommy tomas tomasz tommaso toma
    timothy tim timmy timoteo timofey tymofii
    tobias toby tobiasz tobi
    valentina val valya tina
    valeria val lera valeriia valerie
    veronica ronnie vera nika veronika veronique
    victor vic viktor vittorio wiktor
    victoria vicky tori vic viktoria viktoriia wiktoria
    vincent vince vinny vicente vincenzo
    virginia ginny ginger
    vladimir volodymyr vova wlodzimierz vlad
    walter walt wally
    wilhelmina billie mina minnie willa wilma
    william bill billy will willy liam guillermo guillaume wilhelm willem wim gwilym
    xavier javier xavi
    yasmin jasmine yasmine jasmin yasemin
    zachary zach zack zac zacharias zak zachariah
    TEXT;

    /** @var array<string, list<int>>|null form to the lines it stands in */
    private static ?array $index = null;

    /** @var list<list<string>>|null */
    private static ?array $lines = null;

    /**
     * The names a form can stand for, as numbers: two forms that share one may be one name.
     *
     * @return list<int>
     */
    public static function of(string $key): array
    {
        if (self::$index === null) {
            self::$index = [];
            foreach (self::lines() as $n => $forms) {
                foreach ($forms as $form) {
                    self::$index[$form][] = $n;
                    $loose = '~' . NameKey::loose($form);
                    if (!in_array($n, self::$index[$loose] ?? [], true)) {
                        self::$index[$loose][] = $n;
                    }
                }
            }
        }

        // Names romanised by another rule (Саша gives "sasa") are found by what the rules have in common.
        return self::$index[$key] ?? (self::$index['~' . NameKey::loose($key)] ?? []);
    }

    /** Whether a plain word is among the given names known here. */
    public static function knows(string $key): bool
    {
        return self::of($key) !== [];
    }

    /** @var array<string, list<string>> */
    private static array $initials = [];

    /**
     * First letters that the name may begin with in another of its forms, its own first.
     *
     * @return list<string>
     */
    public static function initials(string $key): array
    {
        if (isset(self::$initials[$key])) {
            return self::$initials[$key];
        }
        $letters = [$key[0] ?? '' => true];
        $lines = self::lines();
        foreach (self::of(explode(' ', $key)[0]) as $n) {
            foreach ($lines[$n] as $form) {
                $letters[$form[0]] = true;
            }
        }

        return self::$initials[$key] = array_map(strval(...), array_keys($letters));
    }

    /** @return list<list<string>> the forms of each name */
    private static function lines(): array
    {
        return self::$lines ??= array_map(
            fn(string $line): array => explode(' ', $line),
            explode("\n", (string) preg_replace('/\n +/', ' ', self::FORMS)),
        );
    }
}
