document.title='Vantrel'
